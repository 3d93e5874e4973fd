import { ApiProperty, ApiPropertyOptional } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsInt,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { ID, idMessage } from '../rigs/requests.js';

const MOST_SONGS = 500;
const MOST_CUES = 400;
const MOST_WORDS = 60;
const LONGEST = 600;

export class ShownCue {
  @ApiProperty() @IsString() @MaxLength(LONGEST) name: string;
  @ApiPropertyOptional() @IsOptional() @IsString() @MaxLength(LONGEST) sound?: string;
  @ApiPropertyOptional() @IsOptional() @IsString() @MaxLength(LONGEST) hit?: string;
  @ApiPropertyOptional() @IsOptional() @IsString() @MaxLength(LONGEST) bank?: string;
  @ApiProperty({ type: [String] })
  @IsArray()
  @ArrayMaxSize(MOST_WORDS)
  @IsString({ each: true })
  @MaxLength(LONGEST, { each: true })
  hands: string[];
}

export class ShownSong {
  @ApiProperty() @IsString() @MaxLength(LONGEST) title: string;
  @ApiProperty() @IsString() @MaxLength(LONGEST) facts: string;
  @ApiProperty({ type: [ShownCue] })
  @IsArray()
  @ArrayMaxSize(MOST_CUES)
  @ValidateNested({ each: true })
  @Type(() => ShownCue)
  cues: ShownCue[];
}

/** A night as others may see it: songs and cues in words, and where the player is. */
export class ShowRequest {
  @ApiProperty() @Matches(ID, idMessage('rig')) rig: string;
  @ApiProperty() @IsString() @MaxLength(LONGEST) name: string;
  @ApiProperty({ type: [ShownSong] })
  @IsArray()
  @ArrayMaxSize(MOST_SONGS)
  @ValidateNested({ each: true })
  @Type(() => ShownSong)
  songs: ShownSong[];
  @ApiProperty({ type: 'integer' }) @IsInt() @Min(0) @Max(MOST_SONGS) song: number;
  @ApiProperty({ type: 'integer' }) @IsInt() @Min(0) @Max(MOST_CUES) cue: number;
}

export class ShowPath {
  @ApiProperty() @Matches(/^[\w-]{8,32}$/, { message: 'this is no link of a show' }) token: string;
}

export class ShowOfRig {
  @ApiProperty() @Matches(ID, idMessage('rig')) rig: string;
}

import { Body, Controller, Delete, Get, HttpCode, Param, Post } from '@nestjs/common';
import { ApiOperation, ApiProperty, ApiTags } from '@nestjs/swagger';
import { readPart } from '@yunta/core/rig/read';
import { broughtUpToDate, FORMAT } from '@yunta/core/rig/versions/index';
import { IsObject, Matches } from 'class-validator';
import { DataSource } from 'typeorm';
import { notFound, refusedFor } from '../door/problem.js';
import { Who, type Asker } from '../people/who.js';
import { ID, idMessage } from '../rigs/requests.js';
import { ShelfBox } from './shelf-box.entity.js';

class ShelveRequest {
  @ApiProperty({ description: 'Under what the box stands on the shelf; the same again replaces it.' })
  @Matches(ID, idMessage('key'))
  key: string;
  @ApiProperty({ description: 'The box, as a device of a rig file.', type: 'object', additionalProperties: true })
  @IsObject({ message: 'box is not a device' })
  box: object;
}

class ShelfPath {
  @ApiProperty() @Matches(ID, idMessage('key')) key: string;
}

@ApiTags('shelf')
@Controller('api/shelf')
export class ShelfController {
  constructor(private readonly database: DataSource) {}

  @Get()
  @ApiOperation({ summary: 'The boxes that the person keeps for other rigs' })
  async list(@Who() who: Asker) {
    const boxes = await this.database
      .getRepository(ShelfBox)
      .find({ where: { owner: who.id }, order: { name: 'ASC' } });
    return boxes.map(({ key, box, format }) => ({ key, box: broughtUpToDate(box, format) }));
  }

  @Post()
  @HttpCode(200)
  @ApiOperation({ summary: 'Put a box on the shelf; harmless to repeat' })
  async shelve(@Who() who: Asker, @Body() { key, box }: ShelveRequest) {
    const read = readPart(box, 'box');
    if (!read.ok) throw refusedFor(read.error);
    if (read.value.kind !== 'device')
      throw refusedFor([
        { code: 'shelf', where: 'box.kind', wrong: `A ${read.value.kind} is no box.`, would: 'Send a device.' },
      ]);
    await this.database
      .getRepository(ShelfBox)
      .upsert({ owner: who.id, key, name: read.value.name, format: FORMAT, box: read.value }, ['owner', 'key']);
    return { key };
  }

  @Delete(':key')
  @ApiOperation({ summary: 'Take a box off the shelf' })
  async takeOff(@Who() who: Asker, @Param() { key }: ShelfPath) {
    const { affected } = await this.database.getRepository(ShelfBox).delete({ owner: who.id, key });
    if (!affected) throw notFound('There is no such box on the shelf.');
    return { key };
  }
}

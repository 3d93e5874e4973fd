import { Body, Controller, Delete, Get, Param, Post, Put, Query } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { ShowOfRig, ShowPath, ShowRequest } from './requests.js';
import { ShowsService, type Show } from './shows.service.js';

@ApiTags('shows')
@Controller('api/shows')
export class ShowsController {
  constructor(private readonly shows: ShowsService) {}

  @Get()
  @ApiOperation({ summary: 'Whether a night of this rig is shared on the network, and by which link' })
  async shared(@Query() { rig }: ShowOfRig): Promise<{ readonly show: Show | null }> {
    return { show: (await this.shows.sharedOf(rig)) ?? null };
  }

  @Post()
  @ApiOperation({ summary: 'Share a night, to look at only, with others on the same network' })
  share(@Body() show: ShowRequest): Promise<Show> {
    return this.shows.share(show);
  }

  @Put(':token')
  @ApiOperation({ summary: 'The shared night as it stands now' })
  goOn(@Param() { token }: ShowPath, @Body() show: ShowRequest): { readonly shown: true } {
    this.shows.goOn(token, show);
    return { shown: true };
  }

  @Delete(':token')
  @ApiOperation({ summary: 'Withdraw the link; harmless to repeat' })
  withdraw(@Param() { token }: ShowPath): { readonly withdrawn: true } {
    this.shows.withdraw(token);
    return { withdrawn: true };
  }
}

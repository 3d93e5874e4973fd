import { Body, Controller, Delete, Get, Header, HttpCode, Param, Post, Query } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { withOrigin } from '@yunta/core/change/origin';
import { readRigFile, writeRigFile } from '@yunta/core/formats/rig-file';
import type { AnyId } from '@yunta/core/rig/ids';
import { readPart } from '@yunta/core/rig/read';
import { everyPart, newRig, type Part, type Rig } from '@yunta/core/rig/rig';
import type { Refusal } from '@yunta/core/rig/result';
import { ChangesService, type Accepted } from '../changes/changes.service.js';
import { refusedFor } from '../door/problem.js';
import { Who, type Asker } from '../people/who.js';
import { ChangeRequest, JournalQuery, NewRigRequest, RevisionPath, RigPath } from './requests.js';
import { RigStore } from './rig-store.js';

const whole = (rig: Rig) => ({ revision: rig.revision, parts: everyPart(rig) });

@ApiTags('rigs')
@Controller('api/rigs')
export class RigsController {
  constructor(
    private readonly rigs: RigStore,
    private readonly changes: ChangesService,
  ) {}

  @Get()
  @ApiOperation({ summary: 'The rigs of the person who asks' })
  async list(@Who() who: Asker) {
    return (await this.rigs.list(who)).map(({ entry: { id, name, revision, changed, demo, removed }, last }) => ({
      id,
      name,
      revision,
      changed,
      demo,
      removed: removed !== null,
      last: last && { label: last.label, who: last.who, when: last.when },
    }));
  }

  @Post()
  @ApiOperation({ summary: 'A new rig, empty or from a rig file' })
  async create(@Who() who: Asker, @Body() { id, change, name, file, label }: NewRigRequest): Promise<Accepted> {
    if (file === undefined) return this.changes.create(who, id, newRig(name ?? 'New rig'), change, label ?? 'New rig');
    const read = readRigFile(file);
    if (!read.ok) throw refusedFor(read.error);
    return this.changes.create(who, id, read.value, change, label ?? 'From a rig file');
  }

  @Get(':rig')
  @ApiOperation({ summary: 'A whole rig at its newest revision' })
  async read(@Who() who: Asker, @Param() { rig }: RigPath) {
    return whole(await this.rigs.load(who, rig));
  }

  @Delete(':rig')
  @ApiOperation({ summary: 'Put a rig away, with its history; harmless to repeat' })
  async remove(@Who() who: Asker, @Param() { rig }: RigPath) {
    await this.rigs.putAway(who, rig, new Date());
    return { removed: true };
  }

  @Post(':rig/back')
  @HttpCode(200)
  @ApiOperation({ summary: 'Bring back a rig that was put away' })
  async bringBack(@Who() who: Asker, @Param() { rig }: RigPath) {
    await this.rigs.putAway(who, rig, null);
    return { removed: false };
  }

  @Get(':rig/file')
  @Header('content-type', 'application/json; charset=utf-8')
  @ApiOperation({ summary: 'The rig as a rig file' })
  async file(@Who() who: Asker, @Param() { rig }: RigPath): Promise<string> {
    return writeRigFile(withOrigin(await this.rigs.load(who, rig), rig));
  }

  @Post(':rig/changes')
  @HttpCode(200)
  @ApiOperation({ summary: 'Apply a change set; harmless to repeat' })
  async change(@Who() who: Asker, @Param() { rig }: RigPath, @Body() request: ChangeRequest): Promise<Accepted> {
    const put: Part[] = [];
    const wrong: Refusal[] = [];
    request.put.forEach((raw, i) => {
      const read = readPart(raw, `put[${i}]`);
      if (read.ok) put.push(read.value);
      else wrong.push(...read.error);
    });
    if (wrong.length) throw refusedFor(wrong);
    return this.changes.submit(who, rig, {
      id: request.id,
      base: request.base,
      label: request.label,
      put,
      remove: request.remove as AnyId[],
    });
  }

  @Get(':rig/journal')
  @ApiOperation({ summary: 'What came after a revision, oldest first, with all that it changed' })
  async journal(@Who() who: Asker, @Param() { rig }: RigPath, @Query() { after = 0, most = 500 }: JournalQuery) {
    const { entries, more } = await this.changes.journal(who, rig, after, most);
    return {
      entries: entries.map(({ revision, change, label, who: by, when, delta }) => ({
        revision,
        id: change,
        label,
        who: by,
        when,
        delta,
      })),
      more,
    };
  }

  @Get(':rig/history')
  @ApiOperation({ summary: 'The newest changes first: who, when, what' })
  async history(
    @Who() who: Asker,
    @Param() { rig }: RigPath,
    @Query() { before = 2 ** 31, most = 100, until }: JournalQuery,
  ) {
    return (await this.changes.history(who, rig, before, most, until === undefined ? undefined : new Date(until))).map(
      ({ revision, change, label, who: by, when, parts }) => ({ revision, id: change, label, who: by, when, parts }),
    );
  }

  @Get(':rig/revisions/:revision')
  @ApiOperation({ summary: 'The rig as it was at a revision' })
  async at(@Who() who: Asker, @Param() { rig, revision }: RevisionPath) {
    return whole(await this.changes.at(who, rig, revision));
  }
}

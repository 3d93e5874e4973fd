import { Controller, Get } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { DataSource } from 'typeorm';
import { JournalEntry } from './journal/journal-entry.entity.js';

@ApiTags('health')
@Controller('api/health')
export class HealthController {
  constructor(private readonly db: DataSource) {}

  @Get()
  @ApiOperation({ summary: 'Whether rigs can be read and changes written, tried by doing both' })
  async health() {
    await this.db.transaction(async (manager) => {
      await manager.query('INSERT INTO `pulse` (`id`, `beats`) VALUES (1, 1) ON DUPLICATE KEY UPDATE `beats` = `beats` + 1');
      await manager.find(JournalEntry, { select: { rig: true, revision: true, label: true }, order: { rig: 'ASC', revision: 'DESC' }, take: 1 });
    });
    return { ok: true };
  }
}

import { Controller, Get } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { DataSource } from 'typeorm';
import { Problem } from './door/problem.js';
import { JournalEntry } from './journal/journal-entry.entity.js';

const PATIENCE_MS = 5000;

/** A database that hangs is away too. */
const inTime = async <T>(work: Promise<T>): Promise<T> => {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, refuse) => {
    timer = setTimeout(
      () =>
        refuse(
          new Problem(
            503,
            'database',
            'The database does not answer',
            `It has not answered for ${PATIENCE_MS / 1000} s. If it goes on so, stop Yunta and start it again.`,
          ),
        ),
      PATIENCE_MS,
    );
  });
  return Promise.race([work, late]).finally(() => clearTimeout(timer));
};

@ApiTags('health')
@Controller('api/health')
export class HealthController {
  constructor(private readonly db: DataSource) {}

  @Get()
  @ApiOperation({ summary: 'Whether rigs can be read and changes written, tried by doing both' })
  async health() {
    await inTime(
      this.db.transaction(async (manager) => {
        await manager.query(
          'INSERT INTO `pulse` (`id`, `beats`) VALUES (1, 1) ON DUPLICATE KEY UPDATE `beats` = `beats` + 1',
        );
        await manager.find(JournalEntry, {
          select: { rig: true, revision: true, label: true },
          order: { rig: 'ASC', revision: 'DESC' },
          take: 1,
        });
      }),
    );
    return { ok: true };
  }
}

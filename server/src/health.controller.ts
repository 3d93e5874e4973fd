import { Controller, Get } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { DataSource } from 'typeorm';

@ApiTags('health')
@Controller('api/health')
export class HealthController {
  constructor(private readonly db: DataSource) {}

  @Get()
  @ApiOperation({ summary: 'Whether the program and its database answer' })
  async health() {
    await this.db.query('SELECT 1');
    return { ok: true };
  }
}

// A database of its own for tests that kill it: prints how to reach it as one line of JSON, mends it when it is killed, stops on SIGTERM.
import { Database } from './database.mjs';

const database = await new Database(process.argv[2]).start();
console.log(JSON.stringify({ ...database.environment, pidFile: database.pidFile }));
process.on('SIGTERM', () => void database.stop().then(() => process.exit(0)));
process.stdin.resume();
process.stdin.on('end', () => void database.stop().then(() => process.exit(0)));

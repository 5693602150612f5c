import { runCommandLine } from './commandLine';

// whoever reads may have read enough (as `head` does)
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code !== 'EPIPE') throw error;
  process.exit(0);
});
process.exitCode = await runCommandLine(process.argv.slice(2));

import { parseArgs } from 'node:util';
import { check } from './check.ts';
import { CliError, exitCodes, type Output } from './exit-codes.ts';
import { gauge } from './gauge.ts';
import { keep } from './keep.ts';
import { plan } from './plan.ts';
import { rehearse } from './rehearse.ts';
import { resin } from './resin.ts';
import { simulateShell } from './shell.ts';
import { simulate } from './simulate.ts';
import { stack } from './stack.ts';

const usage = `wick simulate FILE [--json] [--probe x,y ...] [--layers] [--vtk OUT] [--csv OUT] [--nodes N] [--altitude M] [--room C]
    Forecast of a job file: verdict, events, dry regions; with --probe the minute the front passes a place (metres).
    --layers tells mesh and plies apart, --no-layers averages them (as the job says); --vtk and --csv write results at the nodes.
wick shell SURFACE --job FILE --feed "x,y,z ..." --vent "x,y,z ..." [--unit mm|cm|m|in] [and as above]
    The job's laminate and resin on a surface from an STL or OBJ file; points in metres after scaling, z up.
wick plan FILE --to OUT.dxf|OUT.svg|OUT.geojson|OUT.csv
    The layout for a plotter, full size; as CSV the cut list.
wick stack FILE [--csv OUT]
    What lies on the plies, what is wrong with it, the bag, and everything to fetch; --csv writes the kit list.
wick resin FILE [--csv OUT] [--xlsx OUT] [--nodes N]
    How much resin, line by line, in which batches, what is wrong with them, and the mix sheet of each.
wick gauge FILE --word WORD [--url URL] [--for MIN] [--pull-for MIN] [--leak MBARL/S] [--wet MBAR]
    A simulated vacuum gauge on the job's bag that posts to a running server as a real one would: pulled, then shut.
wick rehearse FILE [--seed N] [--policy planned|follow] [--runs N] [--nodes N] [--json]
    Infusions of the real part with drawn scatter and faults: by the plan alone, or by what the re-forecast advises.
wick check FILE
    Says whether a job file can be used, and what it leaves to assumption.
wick backup FILE [--data FOLDER]
    Everything the server keeps, in one file that is read again before it counts; the server may run meanwhile.
wick restore FILE [--data FOLDER]
    Takes such a file up in an empty folder, or with DATABASE_URL in an empty database.

--altitude  metres above sea level of the workshop (0)
--room      room temperature in degrees C where the job leaves it open (20)

Exit codes: ${Object.values(exitCodes)
  .map(({ code, meaning }) => `${code} ${meaning}`)
  .join('; ')}.`;

/** Runs one command; returns the exit code, of one that goes on for a while in the end. */
export function main(args: string[], output: Output): number | Promise<number> {
  const failed = (error: unknown): number => {
    if (!(error instanceof CliError)) throw error;
    output.err(error.message);
    return exitCodes[error.kind].code;
  };
  try {
    const { values, positionals } = readArguments(args);
    const [command, file, ...rest] = positionals;
    if (values.help || command === undefined || command === 'help') {
      output.out(usage);
      return exitCodes.fine.code;
    }
    if (file === undefined || rest.length > 0)
      throw new CliError('usage', `Name one file after “${command}”. Run “wick help” for the commands.`);
    if (command === 'simulate') return simulate(file, values, output);
    if (command === 'shell') return simulateShell(file, values, output);
    if (command === 'plan') return plan(file, values, output);
    if (command === 'stack') return stack(file, values, output);
    if (command === 'resin') return resin(file, values, output).catch(failed);
    if (command === 'backup' || command === 'restore') return keep(command, file, values.data);
    if (command === 'gauge') return gauge(file, values, output).catch(failed);
    if (command === 'rehearse') return rehearse(file, values, output);
    if (command === 'check') return check(file, values, output);
    throw new CliError('usage', `There is no command “${command}”. Run “wick help” for the commands.`);
  } catch (error) {
    return failed(error);
  }
}

function readArguments(args: string[]) {
  try {
    return parseArgs({
      args,
      allowPositionals: true,
      allowNegative: true,
      options: {
        json: { type: 'boolean' },
        help: { type: 'boolean', short: 'h' },
        probe: { type: 'string', multiple: true },
        layers: { type: 'boolean' },
        vtk: { type: 'string' },
        csv: { type: 'string' },
        xlsx: { type: 'string' },
        to: { type: 'string' },
        job: { type: 'string' },
        feed: { type: 'string', multiple: true },
        vent: { type: 'string', multiple: true },
        unit: { type: 'string' },
        nodes: { type: 'string' },
        altitude: { type: 'string' },
        room: { type: 'string' },
        data: { type: 'string' },
        seed: { type: 'string' },
        policy: { type: 'string' },
        runs: { type: 'string' },
        word: { type: 'string' },
        url: { type: 'string' },
        for: { type: 'string' },
        'pull-for': { type: 'string' },
        leak: { type: 'string' },
        wet: { type: 'string' },
      },
    });
  } catch (error) {
    throw new CliError('usage', `${(error as Error).message}. Run “wick help” for the options.`);
  }
}

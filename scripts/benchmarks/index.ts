import { entryBench } from './entry';
import type { Figure } from './figure';
import { gridBench } from './grid';
import { handBench } from './hand';
import { endLargeBooks } from './largeBooks';
import { needRunBench } from './needRun';
import { needsBench } from './needs';
import { ordersBench } from './orders';
import { searchBench } from './search';
import { sheetsBench } from './sheets';
import { stockBench } from './stock';

const benches: Readonly<Record<string, () => Promise<Figure[]>>> = {
  'need-run': needRunBench,
  grid: gridBench,
  hand: handBench,
  sheets: sheetsBench,
  search: searchBench,
  stock: stockBench,
  needs: needsBench,
  orders: ordersBench,
  entry: entryBench,
};

async function runBenches(): Promise<void> {
  const wanted = process.argv.slice(2);
  const unknown = wanted.filter((name) => !Object.hasOwn(benches, name));
  if (unknown.length > 0) {
    console.error(`No bench is called ${unknown.join(', ')}; there are: ${Object.keys(benches).join(', ')}.`);
    process.exitCode = 2;
    return;
  }
  for (const [name, bench] of Object.entries(benches)) {
    if (wanted.length > 0 && !wanted.includes(name)) continue;
    for (const figure of await bench()) console.log(JSON.stringify(figure));
  }
  await endLargeBooks();
}

runBenches().catch((e) => {
  console.error(e);
  process.exit(1);
});

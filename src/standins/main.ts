import { startMailbox } from './mailbox';
import { startRateFile } from './rateFile';
import { startTill } from './till';
import { startWebShop } from './webShop';

/** The stand-ins of the demo, in one process that ends with its start command. Arguments: folder and port of the mailbox. */
const [folder = '', port = '0'] = process.argv.slice(2);
const end = () => process.exit(0);
for (const signal of ['SIGTERM', 'SIGINT', 'disconnect'] as const) process.on(signal, end);

Promise.all([startMailbox(folder, Number(port)), startRateFile(0, () => new Date()), startTill(0), startWebShop(0)])
  .then(([mailbox, rates, till, webShop]) =>
    process.send?.({ mailbox: mailbox.port, rates: rates.url, till: till.url, webShop: webShop.url }),
  )
  .catch((e) => {
    console.error(e);
    process.exit(1);
  });

import { startMailbox } from './mailbox';

/** The stand-ins of the demo, in one process that ends with its start command. Arguments: folder and port of the mailbox. */
const [folder = '', port = '0'] = process.argv.slice(2);
const end = () => process.exit(0);
for (const signal of ['SIGTERM', 'SIGINT', 'disconnect'] as const) process.on(signal, end);

startMailbox(folder, Number(port))
  .then((mailbox) => process.send?.({ mailbox: mailbox.port }))
  .catch((e) => {
    console.error(e);
    process.exit(1);
  });

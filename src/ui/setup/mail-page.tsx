import Link from 'next/link';
import type { OutboxRow } from '@/data/repositories/outbox';
import type { ReceivedMail } from '@/standins/mailbox';
import { countOf, type Format } from '../format';
import { ExportLinks } from '../frame/export-links';
import { ListBar } from '../frame/list';
import { ListAndPanel, Notice } from '../frame/states';
import { MailAgain } from './mail-again.client';

const states: Readonly<Record<OutboxRow['state'], string>> = {
  waiting: 'waits',
  sent: 'sent',
  failed: 'not sent',
  stopped: 'stopped',
};

/** Mail that goes out: what waits, what has gone out, and its text; in the demo what the stand-in mailbox received. */
export function MailPage(props: {
  outbox: readonly OutboxRow[];
  received: readonly ReceivedMail[];
  standin: boolean;
  chosen: string;
  format: Format;
}) {
  const { outbox, received, format } = props;
  const mail = outbox.find((m) => String(m.id) === props.chosen) ?? outbox[0];
  const arrived = mail && received.find((r) => r.subject === mail.subject && r.to.includes(mail.recipient));
  const waiting = outbox.filter((m) => m.state === 'waiting').length;
  return (
    <ListAndPanel
      label="The mail"
      panel={mail ? <MailText mail={mail} arrived={arrived} standin={props.standin} format={format} /> : null}
    >
      <ListBar
        title={countOf(outbox.length, 'mail')}
        about={`${waiting === 0 ? 'none waits' : `${waiting} wait`}${
          props.standin ? ` · ${received.length} in the mailbox stand-in; nothing leaves this machine` : ''
        }`}
      >
        <span className="ml-auto">
          <ExportLinks of="Mail" path="/api/exports/mail" />
        </span>
      </ListBar>
      {outbox.length === 0 ? (
        <Notice title="No mail has been sent yet">Orders that are sent by mail show here with their text.</Notice>
      ) : (
        <table className="sheet">
          <thead>
            <tr>
              <th style={{ width: '46%' }}>Subject</th>
              <th>To</th>
              <th>State</th>
              <th>By</th>
            </tr>
          </thead>
          <tbody>
            {outbox.map((m) => (
              <tr key={m.id} className="two" data-current={m.id === mail?.id}>
                <td>
                  <Link className="name block" href={`/mailbox?mail=${m.id}`}>
                    {m.subject}
                  </Link>
                  <span className="second">{format.date(m.createdAt.slice(0, 10))}</span>
                </td>
                <td>{m.recipient}</td>
                <td className={m.state === 'failed' ? 'font-semibold text-stop' : ''}>
                  {states[m.state]}
                  {m.state !== 'sent' && m.attempts > 0 && (
                    <span className="second"> after {countOf(m.attempts, 'attempt')}</span>
                  )}
                  {m.fault && <span className="fault block">{m.fault}</span>}{' '}
                  <MailAgain mail={{ id: m.id, state: m.state, subject: m.subject }} />
                </td>
                <td className="second">{m.who ?? '–'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </ListAndPanel>
  );
}

function MailText({
  mail,
  arrived,
  standin,
  format,
}: {
  mail: OutboxRow;
  arrived: ReceivedMail | undefined;
  standin: boolean;
  format: Format;
}) {
  return (
    <article>
      <h2 className="head">{mail.subject}</h2>
      <p className="second mb-2">
        to {mail.recipient}
        {arrived ? `, from ${arrived.from}` : ''}
        {mail.sentAt ? ` · sent ${format.date(mail.sentAt.slice(0, 10))}` : ''}
        {(mail.entity === 'order' || mail.entity === 'reminder' || mail.entity === 'approval') && (
          <>
            {' · '}
            <Link className="link" href={`/orders/${mail.entityId}`}>
              the order
            </Link>
          </>
        )}
      </p>
      <pre className="whitespace-pre-wrap font-sans text-[12.5px] leading-relaxed">{arrived?.text ?? mail.body}</pre>
      {arrived && arrived.attachments.length > 0 && (
        <p className="second mt-3">Beside it: {arrived.attachments.join(', ')}</p>
      )}
      <p className="second mt-3 border-t border-rule pt-2">
        {arrived
          ? 'As it arrived in the mailbox stand-in.'
          : standin
            ? 'As it goes out; it has not arrived in the mailbox stand-in yet.'
            : `As it ${mail.state === 'sent' ? 'went' : 'goes'} out.`}
      </p>
    </article>
  );
}

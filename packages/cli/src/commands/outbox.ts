import { ApiError } from '@pallmist/api';
import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { columns, print } from '../output.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

export function addOutbox(program: Command): void {
  withService(program.command('outbox').argument('[number]', 'Number of a mail, to read it'))
    .option('--resend', 'Send the mail with this number again, or all failed mails')
    .addHelpText('after', '\nExamples:\n  pallmist outbox\n  pallmist outbox 3\n  pallmist outbox --resend')
    .action(async (number: string | undefined, options: ServiceOptions & { resend?: boolean }) => {
      const client = await clientFor(options);
      if (options.resend === true) {
        const answer = await client.call('resendMails', {}, number === undefined ? {} : { numbers: [Number(number)] });
        print(options.json, answer, () => [
          answer.resent === 0 ? 'There is nothing that could be sent again.' : `${String(answer.resent)} mails are on their way again.`,
        ]);
        return;
      }
      const { mails } = await client.call('listMails', {}, undefined);
      if (number === undefined) {
        print(options.json, { mails }, () =>
          mails.length === 0
            ? ['There are no mails yet.']
            : columns(
                mails.map((mail) => [
                  String(mail.number),
                  mail.writtenAt.slice(0, 16).replace('T', ' '),
                  mail.state,
                  mail.recipient,
                  mail.subject,
                ]),
              ),
        );
        return;
      }
      // With the owner’s token the mail comes whole; a named token sees it without its one-time link.
      const mail = await client.call('readMail', { number }, undefined).catch((error: unknown) => {
        if (error instanceof ApiError && error.status === 403) return mails.find((candidate) => String(candidate.number) === number);
        if (error instanceof ApiError && error.status === 404) return undefined;
        throw error;
      });
      if (mail === undefined) throw new CommandError(exit.problems, `There is no mail ${number}. pallmist outbox lists them.`);
      print(options.json, mail, () => [
        `To: ${mail.recipient}`,
        `Subject: ${mail.subject}`,
        `State: ${mail.state}${mail.problem === '' ? '' : ` (${mail.problem})`}`,
        '',
        mail.text.trimEnd(),
      ]);
    });
}

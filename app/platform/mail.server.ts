import { createTransport } from "nodemailer";
import { environment } from "./env.server";
import { log } from "./log.server";

/** Whether a mail server is set: without one, links are handed over by hand. */
export function mailIsSet(): boolean {
  return environment().SMTP_URL !== undefined;
}

/** Longest wait for a mail server, ms: a person waits for the page. */
const MAIL_MS = 10_000;

/**
 * Sends one letter in plain text.
 * @returns false where the mail server did not take it; the reason is in the log, never the address
 */
export async function sendMail(letter: {
  to: string;
  subject: string;
  text: string;
}): Promise<boolean> {
  const { SMTP_URL, MAIL_FROM } = environment();
  if (!SMTP_URL) return false;
  const transport = createTransport(SMTP_URL, {
    from: MAIL_FROM,
  });
  try {
    await Promise.race([
      transport.sendMail({ ...letter, disableFileAccess: true, disableUrlAccess: true }),
      new Promise<never>((_, reject) => {
        setTimeout(() => reject(new Error("no answer in time")), MAIL_MS).unref();
      }),
    ]);
    return true;
  } catch (error) {
    log.error({ err: error }, "a letter could not be sent");
    return false;
  } finally {
    transport.close();
  }
}

/**
 * What went wrong on a PostgreSQL server, as a sentence with a way on; undefined for a bug of ours.
 * @param setting the setting that names the server
 */
export function serverWords(error: unknown, setting: string): string | undefined {
  const { code, message } = error as { code?: string; message: string };
  const known: Record<string, string> = {
    ECONNREFUSED: `The PostgreSQL server does not answer. Start it, or correct ${setting}.`,
    ENOTFOUND: `There is no such host. Correct ${setting}.`,
    CONNECT_TIMEOUT: `The PostgreSQL server does not answer. Correct ${setting}.`,
    "28P01": `The server refused the password. Correct ${setting}.`,
    "28000": `The server refused this user. Correct ${setting}.`,
    "3D000": `There is no such database on this server. Correct ${setting}.`,
    "42501": `This user may not do that (${message}). Name one in ${setting} who may.`,
    "53100": "The disk of the database is full. Make room, then try again.",
    "57P01": "The server was stopped meanwhile. Start it, then try again.",
  };
  return code === undefined ? undefined : known[code];
}

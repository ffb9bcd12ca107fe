import type { FastifyReply } from 'fastify';

/** Makes an answer a CSV file of a name, which may be in any script (RFC 6266); what no file system takes becomes a space. */
export const asCsvFile = (reply: FastifyReply, name: string): FastifyReply =>
  reply
    .header(
      'content-disposition',
      `attachment; filename*=UTF-8''${encodeURIComponent(`${name.replace(/[^\p{L}\p{N}., -]/gu, ' ')}.csv`)}`,
    )
    .type('text/csv; charset=utf-8');

/** Every error the API can answer with: HTTP status and words. `{x}` is filled in from the details. */
export const ERRORS = {
  'not-found': [404, 'There is no {what} here. It may have been removed; go back and choose again.'],
  'bad-request': [400, 'This request could not be read: {detail}. Nothing was changed.'],
  'wrong-host': [403, 'This server only answers to its own address on this machine. Nothing was changed.'],
  'too-large': [413, 'The file is larger than {limit}. Nothing was brought in; split it and bring in the parts.'],
  'empty-file': [422, '{name} is empty. Nothing was brought in; choose another file.'],
  'no-rows': [422, '{name} has a header but no rows below it. Nothing was brought in.'],
  'binary-file': [
    422,
    '{name} is not a table: it holds binary data. Nothing was brought in; save it as CSV or XLSX and try again.',
  ],
  'broken-workbook': [
    422,
    '{name} could not be opened as a workbook: {detail}. Nothing was brought in; save it again as XLSX or CSV.',
  ],
  'broken-zip': [
    422,
    '{name} could not be unpacked: {detail}. Nothing was brought in; unpack it yourself and bring in the files.',
  ],
  'no-records': [
    422,
    '{name} holds nothing that repeats: no table, list or cards of records. Nothing was brought in; copy the rows out of the page and paste them.',
  ],
  'broken-json': [
    422,
    '{name} begins like JSON and is none: it breaks off or a sign is missing. Nothing was brought in; save it again, or as JSON lines, of which the good ones come in.',
  ],
  'workbook-too-large': [
    422,
    '{name} unpacks to more than {limit}. It was not opened, and nothing was brought in; save it as CSV.',
  ],
  'too-long': [
    422,
    'This took more time or memory than it may, and was stopped. Nothing was changed; split what it reads and try again.',
  ],
  'unknown-encoding': [422, 'There is no encoding {encoding}. Nothing was brought in; choose another, like utf-8.'],
  'old-workbook': [422, '{name} is a workbook of the old kind (.xls). Nothing was brought in; save it as XLSX or CSV.'],
  'too-many-columns': [
    422,
    '{name} has {columns} columns; up to {limit} can be read. Nothing was brought in; remove some and try again.',
  ],
  'nothing-mapped': [
    422,
    'No column says who anybody is. Nothing was brought in; choose at least a name, an email, a phone or a profile link.',
  ],
  'not-running': [409, 'This run is {state}; that cannot be done to it now.'],
  'nothing-to-export': [
    422,
    'No contact matches this choice, so no file was written. Choose more verdicts, or all instead of the new ones.',
  ],
  'export-broken': [
    500,
    '{name} on the disk is not what was written. Nobody counts as exported; look after the disk and export again.',
  ],
  'changed-meanwhile': [
    409,
    '{what} was changed meanwhile. Nothing of yours was saved over it; look at it again, and say it once more.',
  ],
  'refund-too-large': [409, 'Only {cents} cents of this charge are left to be given back. Nothing was written.'],
  'not-undoable': [409, 'This decision has no effect any more: {why}. Nothing was changed.'],
  'nothing-to-ask': [409, 'No contact waits to be asked about. Nothing was asked.'],
  'no-directory': [422, 'No directory is set up. Nothing was asked; name one in the settings.'],
  'directory-down': [502, '{name}: {reason}. What was pulled before is kept; try again later.'],
  'page-down': [502, '{address}: {reason}. What was brought in before is kept; try again later.'],
  'page-refused': [
    422,
    'The robots.txt of {host} does not allow {path}. The page was not fetched; save it in your browser and bring in the file, if you may.',
  ],
  'private-address': [
    422,
    '{host} is not on the public internet. Nothing was fetched; save the page and bring in the file.',
  ],
  'no-page': [422, '{address} is no web page but {type}. Nothing was brought in; download it and bring in the file.'],
  'cannot-split': [422, 'This condition does not separate the batch: all of its rows have one value. Choose another.'],
  'cannot-join': [422, 'These two batches differ in more than one condition, so no single search has just their rows.'],
  'standing-circle': [
    422,
    'These searches would start each other without end. Nothing was changed; choose another search to wait for.',
  ],
  'disk-full': [507, 'The disk is full. What was saved before is kept; free some space and try again.'],
  locked: [
    503,
    'Another program is writing into the data folder. Nothing of this was saved; try again once it is done.',
  ],
  'folder-taken': [
    409,
    '{folder} is in use by process {pid}{where}. Nothing was changed; use that one, end it, or name another folder with --data.',
  ],
  internal: [
    500,
    'Something failed on the server. What was saved before is kept; try again, and look at the log if it stays.',
  ],
} as const satisfies Record<string, readonly [status: number, words: string]>;

export type ErrorCode = keyof typeof ERRORS;

/** The words of an error with its details filled in. */
export const errorWords = (code: ErrorCode, details: Record<string, string | number> = {}): string =>
  ERRORS[code][1].replace(/\{(\w+)\}/g, (_, key: string) => String(details[key] ?? ''));

import type { Readable } from 'node:stream';
import { SaxesParser } from 'saxes';

/** What is heard of an XML document; names come without their prefix. */
export interface Heard {
  open?: (name: string, attributes: Record<string, string>) => void;
  text?: (text: string) => void;
  close?: (name: string) => void;
}

/**
 * Reads XML piece by piece: yields after each piece, so that what was heard can be taken. Throws where the document, or the zip
 * that it comes from, breaks; what was heard before that stays heard.
 */
export async function* hear(stream: Readable, { open, text, close }: Heard): AsyncGenerator<void> {
  const parser = new SaxesParser({ xmlns: false, position: false });
  let wrong: Error | undefined;
  parser.on('error', (error) => (wrong ??= error));
  parser.on('opentag', ({ name, attributes }) => open?.(local(name), attributes as Record<string, string>));
  parser.on('closetag', ({ name }) => close?.(local(name)));
  if (text) {
    parser.on('text', text);
    parser.on('cdata', text);
  }
  const decoder = new TextDecoder();
  for await (const chunk of stream) {
    parser.write(decoder.decode(chunk as Buffer, { stream: true }));
    if (wrong) throw wrong;
    yield;
  }
  parser.close();
  if (wrong) throw wrong;
}

/** Reads a whole document, for what is small. */
export async function hearAll(stream: Readable, heard: Heard): Promise<void> {
  const pieces = hear(stream, heard);
  while (!(await pieces.next()).done);
}

const local = (name: string) => name.slice(name.indexOf(':') + 1);

/** An attribute by its local name. */
export const attribute = (attributes: Record<string, string>, name: string): string | undefined =>
  attributes[name] ?? Object.entries(attributes).find(([key]) => local(key) === name)?.[1];

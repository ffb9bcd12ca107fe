import { Pipe, type PipeTransform } from '@angular/core';

/** A whole number with its thousands apart. */
@Pipe({ name: 'count' })
export class CountPipe implements PipeTransform {
  transform(value: number | null | undefined): string {
    return (value ?? 0).toLocaleString('en-GB');
  }
}

import { list, type ProblemKinds } from './kind.ts';

/** What a file, a row or a cell of it can be refused for. */
export const filesProblems = {
  'cell-missing': { status: 422, title: 'Empty', detail: () => 'This must not be empty.' },
  'cell-error': {
    status: 422,
    title: 'Error in the cell',
    detail: ({ cell }) => `Cell ${cell} shows an error. Mend its formula in the spreadsheet and save it again.`,
  },
  'formula-without-value': {
    status: 422,
    title: 'Formula without a value',
    detail: ({ cell }) =>
      `Cell ${cell} is a formula that was saved without its value. Open the file in a spreadsheet and save it again.`,
  },
  'cells-too-many': {
    status: 422,
    title: 'Too many cells',
    detail: ({ cells, titles }) =>
      `This row has ${cells} cells under ${titles} titles. Check for a delimiter inside a cell that needs quotes.`,
  },
  'row-repeated': {
    status: 422,
    title: 'Listed twice',
    detail: ({ first }) => `This is in row ${first} already. Keep one of the two.`,
  },
  'code-shape': {
    status: 422,
    title: 'Not a code',
    detail: ({ typed }) => `“${typed}” is not a code: up to 40 characters without spaces and slashes.`,
  },
  'text-too-long': {
    status: 422,
    title: 'Too long',
    detail: ({ most, is }) => `This has ${is} characters; ${most} are allowed.`,
  },
  'word-unknown': {
    status: 422,
    title: 'Unknown word',
    detail: ({ typed, known }) => `“${typed}” is not known here. Write ${list(known)}.`,
  },
  'unknown-unit': {
    status: 422,
    title: 'Unknown unit',
    detail: ({ typed, known }) =>
      `“${typed}” is not a stock unit. There are ${list(known)}; add the unit under Places and units first.`,
  },
  'unknown-rate': {
    status: 422,
    title: 'Unknown rate',
    detail: ({ typed, known }) =>
      `“${typed}” is not a labour rate. There are ${list(known)}; add the rate under Places and units first.`,
  },
  'unknown-item-code': {
    status: 422,
    title: 'Unknown item',
    detail: ({ typed }) => `There is no item with the code “${typed}”. Import the items first, or correct the code.`,
  },
  'unknown-bin-code': {
    status: 422,
    title: 'Unknown bin',
    detail: ({ typed }) => `There is no bin “${typed}”. Add it under Places and units first, or correct it.`,
  },
  'bin-in-many-stores': {
    status: 422,
    title: 'Which store?',
    detail: ({ typed }) => `Several stores have a bin “${typed}”. Write it with its store, like MAIN/${typed}.`,
  },
  'break-shape': {
    status: 422,
    title: 'Not a price break',
    detail: ({ typed }) =>
      `“${typed}” is not a price break, or one for a quantity that has a price already. Write from how many and the price, like 100 = 1.80.`,
  },
  'name-said-twice': {
    status: 422,
    title: 'Listed twice',
    detail: ({ name }) => `“${name}” is listed twice. List each name once.`,
  },
  'pack-shape': {
    status: 422,
    title: 'Not a pack',
    detail: ({ typed }) => `“${typed}” is not a pack. Write a name and its size, like box = 12.`,
  },
  'pack-twice': {
    status: 422,
    title: 'Pack twice',
    detail: ({ name }) => `The pack “${name}” is listed twice. Take one out.`,
  },
  'supplier-two-names': {
    status: 422,
    title: 'Two names',
    detail: ({ supplier, name }) => `${supplier} is called “${name}” already. Use one name.`,
  },
  'stock-there-already': {
    status: 409,
    title: 'Stock is there',
    detail: ({ quantity, unitCost }) =>
      `${quantity} at ${unitCost} are there already. Opening stock is for what is not there yet; receive or count the rest.`,
  },
  'stock-has-moved': {
    status: 409,
    title: 'Has moved already',
    detail: () => 'Stock of this item has moved already, so it cannot be opened again. Receive or count it instead.',
  },
  'shared-differs': {
    status: 422,
    title: 'Differs from above',
    detail: ({ first }) => `The first row of this product says “${first}”. All its rows must say the same, or nothing.`,
  },
  'day-shape': {
    status: 422,
    title: 'Not a date',
    detail: ({ typed }) => `“${typed}” is not a date. Write it like 2026-12-24, or as a date in the workbook.`,
  },
  'customer-unknown': {
    status: 422,
    title: 'Customer unknown',
    detail: ({ typed }) => `“${typed}” is not a customer’s code or name. Bring the customers in first.`,
  },
  'order-here-already': {
    status: 409,
    title: 'Here already',
    detail: ({ number }) => `${number} is here already, and not as the file has it. Change it on its own page.`,
  },
  'order-shipped-in-file': {
    status: 422,
    title: 'Nothing has left yet',
    detail: () => 'A new order cannot have left already. Leave the column empty and ship it here.',
  },
  'too-many-lines': {
    status: 422,
    title: 'Too many lines',
    detail: ({ most }) => `A definition can have ${most} lines at most.`,
  },
  'file-too-large': {
    status: 413,
    title: 'File too large',
    detail: ({ most }) =>
      `This file is larger than ${Math.round(most / 1024 / 1024)} MB. Split it into several, or leave out what is not needed.`,
  },
  'file-too-many-rows': {
    status: 422,
    title: 'Too many rows',
    detail: ({ rows, most }) => `This file has ${rows} rows; ${most} can come in at once. Split it into several.`,
  },
  'file-too-much': {
    status: 422,
    title: 'Unpacks to too much',
    detail: () =>
      'This workbook unpacks to far more than a catalogue holds and was not opened. Save the sheet alone, as CSV or XLSX.',
  },
  'file-too-many-cells': {
    status: 422,
    title: 'Too many cells',
    detail: () =>
      'This file has far more cells, or larger named ranges, than a catalogue needs, and was not read. Save the sheet alone, as CSV.',
  },
  'file-too-slow': {
    status: 422,
    title: 'Takes too long',
    detail: () => 'This file took longer than a minute to read and was given up. Split it, or save the sheet as CSV.',
  },
  'file-empty': {
    status: 422,
    title: 'Nothing in it',
    detail: () => 'There are no rows below a row of titles in this file. Check that you chose the right one.',
  },
  'file-broken': {
    status: 422,
    title: 'Damaged',
    detail: () => 'This workbook is damaged and cannot be opened. Save it again and try once more.',
  },
  'file-binary': {
    status: 422,
    title: 'Not a table',
    detail: () => 'This is not a text file with rows and columns. Save the sheet as CSV or XLSX.',
  },
  'file-not-table': {
    status: 422,
    title: 'Not a table',
    detail: ({ what }) => `This is ${what}, whatever its name says. Save the sheet as CSV or XLSX.`,
  },
  'file-old-workbook': {
    status: 422,
    title: 'Old format',
    detail: () => 'This is a workbook in the format of before 2007. Save it as XLSX.',
  },
  'file-quotes': {
    status: 422,
    title: 'Quotes do not match',
    detail: ({ row }) => `A quoted cell in row ${row} is never closed, or has a quote in the middle. Mend it there.`,
  },
  'column-twice': {
    status: 422,
    title: 'Column twice',
    detail: () => 'Two columns of the file are read as the same. Leave one of them out.',
  },
  'import-has-refusals': {
    status: 409,
    title: 'Rows are refused',
    detail: ({ refused }) =>
      `${refused} rows are refused, so nothing came in. Mend them in the file, or leave columns out, and try again.`,
  },
  'import-changed': {
    status: 409,
    title: 'Changed meanwhile',
    detail: () =>
      'Something changed after the file was checked, so it is being checked again. Look at it once more before you bring it in.',
  },
  'import-cancelled': { status: 409, title: 'Stopped', detail: () => 'The import was stopped; nothing of it came in.' },
  'import-gone': {
    status: 404,
    title: 'Not here any more',
    detail: () => 'This file is not waiting here any more. Choose it again; nothing of it came in.',
  },
  'imports-full': {
    status: 503,
    title: 'Too many files',
    detail: () => 'Too many files are waiting to be brought in. Bring one in or stop it, then choose this one again.',
  },
  'too-much-waiting': {
    status: 429,
    title: 'Enough is waiting',
    detail: ({ most }) => `${most} of yours are waiting already. Wait until some of them are done.`,
  },
} satisfies Partial<ProblemKinds>;

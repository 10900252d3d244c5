import { list, type ProblemKinds } from './kind.ts';

/** What a file, a row or a cell of it can be refused for. */
export const filesProblems = {
  'cell-missing': { status: 422, title: 'Cell is empty', detail: () => 'Fill this in.' },
  'cell-error': {
    status: 422,
    title: 'Error in the cell',
    detail: ({ cell }) => `Cell ${cell} shows an error. Fix its formula in the spreadsheet and save it again.`,
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
    title: 'Row listed twice',
    detail: ({ first }) => `This is in row ${first} already. Remove one of the two.`,
  },
  'code-shape': {
    status: 422,
    title: 'Not a valid code',
    detail: ({ typed }) => `“${typed}” is not a code: up to 40 characters without spaces and slashes.`,
  },
  'text-too-long': {
    status: 422,
    title: 'The text is too long',
    detail: ({ most, is }) => `This has ${is} characters; ${most} are allowed.`,
  },
  'word-unknown': {
    status: 422,
    title: 'Word not understood here',
    detail: ({ typed, known }) => `“${typed}” is not known here. Write ${list(known)}.`,
  },
  'unknown-unit': {
    status: 422,
    title: 'No such unit here',
    detail: ({ typed, known }) =>
      `“${typed}” is not a stock unit. There are ${list(known)}; add the unit under Places and units first.`,
  },
  'unknown-rate': {
    status: 422,
    title: 'No such labour rate',
    detail: ({ typed, known }) =>
      `“${typed}” is not a labour rate. There are ${list(known)}; add the rate under Places and units first.`,
  },
  'unknown-item-code': {
    status: 422,
    title: 'No such item here',
    detail: ({ typed }) => `There is no item with the code “${typed}”. Import the items first, or correct the code.`,
  },
  'unknown-bin-code': {
    status: 422,
    title: 'No such bin here',
    detail: ({ typed }) => `There is no bin “${typed}”. Add it under Places and units first, or correct it.`,
  },
  'bin-in-many-stores': {
    status: 422,
    title: 'Which store is it?',
    detail: ({ typed }) => `Several stores have a bin “${typed}”. Write it with its store, like MAIN/${typed}.`,
  },
  'break-shape': {
    status: 422,
    title: 'Not a valid price break',
    detail: ({ typed }) =>
      `“${typed}” is not a price break, or its quantity has a price already. Write the quantity and the price, like 100 = 1.80.`,
  },
  'name-said-twice': {
    status: 422,
    title: 'Row listed twice',
    detail: ({ name }) => `“${name}” is listed twice. List each name once.`,
  },
  'pack-shape': {
    status: 422,
    title: 'Not a valid pack',
    detail: ({ typed }) => `“${typed}” is not a pack. Write a name and its size, like box = 12.`,
  },
  'pack-twice': {
    status: 422,
    title: 'Pack listed twice',
    detail: ({ name }) => `The pack “${name}” is listed twice. Remove one.`,
  },
  'supplier-two-names': {
    status: 422,
    title: 'Two different names',
    detail: ({ supplier, name }) => `${supplier} is already called “${name}”. Use one name.`,
  },
  'stock-there-already': {
    status: 409,
    title: 'Stock is there',
    detail: ({ quantity, unitCost }) =>
      `${quantity} at ${unitCost} are in stock already. Opening stock is for what is not there yet; receive or count the rest.`,
  },
  'stock-has-moved': {
    status: 409,
    title: 'Has moved already',
    detail: () => 'Stock of this item has moved already, so it can’t have opening stock. Receive or count it instead.',
  },
  'shared-differs': {
    status: 422,
    title: 'Differs from above',
    detail: ({ first }) => `The first row of this product says “${first}”. All its rows must say the same, or nothing.`,
  },
  'day-shape': {
    status: 422,
    title: 'Not a valid date',
    detail: ({ typed }) => `“${typed}” is not a date. Write it like 2026-12-24, or as a date in the workbook.`,
  },
  'customer-unknown': {
    status: 422,
    title: 'No such customer yet',
    detail: ({ typed }) => `“${typed}” is not a customer’s code or name. Import the customers first.`,
  },
  'order-here-already': {
    status: 409,
    title: 'Order already imported',
    detail: ({ number }) => `${number} is already here and differs from the file. Change it on its own page.`,
  },
  'order-shipped-in-file': {
    status: 422,
    title: 'Nothing has left yet',
    detail: () => 'A new order can’t have been shipped already. Leave the column empty and ship it here.',
  },
  'too-many-lines': {
    status: 422,
    title: 'Too many lines',
    detail: ({ most }) => `A bill of materials can have ${most} lines at most.`,
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
    detail: ({ rows, most }) => `This file has ${rows} rows; ${most} can be imported at once. Split it into several.`,
  },
  'file-too-much': {
    status: 422,
    title: 'Unpacks to too much',
    detail: () =>
      'This workbook unpacks to far more than a list holds and was not opened. Save the sheet alone, as CSV or XLSX.',
  },
  'file-too-many-cells': {
    status: 422,
    title: 'Too many cells',
    detail: () => 'This file has far more cells or named ranges than a list needs. Save the sheet alone as CSV.',
  },
  'file-too-slow': {
    status: 422,
    title: 'Takes too long',
    detail: () =>
      'This file took longer than a minute to read, so reading was stopped. Split it, or save the sheet as CSV.',
  },
  'file-empty': {
    status: 422,
    title: 'Nothing here yet',
    detail: () => 'This file has no rows below its titles. Check that you chose the right one.',
  },
  'file-broken': {
    status: 422,
    title: 'The file is damaged',
    detail: () => 'This workbook is damaged and can’t be opened. Save it again and try once more.',
  },
  'file-binary': {
    status: 422,
    title: 'Not a table file',
    detail: () => 'This is not a text file with rows and columns. Save the sheet as CSV or XLSX.',
  },
  'file-not-table': {
    status: 422,
    title: 'Not a table file',
    detail: ({ what }) => `This is ${what}, whatever its name says. Save the sheet as CSV or XLSX.`,
  },
  'file-old-workbook': {
    status: 422,
    title: 'Old spreadsheet format',
    detail: () => 'This workbook is in a format from before 2007. Save it as XLSX.',
  },
  'file-quotes': {
    status: 422,
    title: 'Quotes do not match',
    detail: ({ row }) => `A quoted cell in row ${row} is never closed, or has a quote in the middle. Fix it there.`,
  },
  'column-twice': {
    status: 422,
    title: 'Two columns match',
    detail: () => 'Two columns of the file are read as the same. Leave one of them out.',
  },
  'import-has-refusals': {
    status: 409,
    title: 'Rows are refused',
    detail: ({ refused }) =>
      `${refused} rows are refused, so nothing was imported. Fix them in the file, or leave columns out, and try again.`,
  },
  'import-changed': {
    status: 409,
    title: 'Changed by someone else',
    detail: () =>
      'Something changed after the file was checked, so it is being checked again. Look at the result before you import it.',
  },
  'import-cancelled': {
    status: 409,
    title: 'The import was stopped',
    detail: () => 'The import was stopped; nothing was imported.',
  },
  'import-gone': {
    status: 404,
    title: 'Not here any more',
    detail: () => 'This file is no longer here, and nothing was imported. Choose it again.',
  },
  'imports-full': {
    status: 503,
    title: 'Too many files',
    detail: () => 'Too many files are waiting for import. Import one or stop it, then choose this one again.',
  },
  'too-much-waiting': {
    status: 429,
    title: 'Too many uploads pending',
    detail: ({ most }) => `You already have ${most} uploads pending. Try again when some are done.`,
  },
} satisfies Partial<ProblemKinds>;

// A PDF's drawing text, step by step (ISO 32000-1, 7.2 and 7.8.2).

/** Blank, or what a token ends at. */
const BREAK = /[\0\t\n\f\r ()<>[\]{}/%]/;
const ENDS = { '(': endOfString, '<': endOfHex, '%': endOfComment };

/**
 * @param text of one byte a letter
 * @yields every operator with the numbers and names before it, and where it ends
 */
export function* stepsIn(text) {
  let operands = [];
  for (let i = 0; i < text.length;) {
    const letter = text[i];
    const skip = ENDS[letter];
    if (skip) i = skip(text, i);
    else if (letter === '/') {
      const end = endOfToken(text, i + 1);
      operands.push(
        text
          .slice(i + 1, end)
          .replace(/#([0-9a-f]{2})/gi, (_, hex) => String.fromCharCode(parseInt(hex, 16))),
      );
      i = end;
    } else if (BREAK.test(letter)) i++;
    else {
      const end = endOfToken(text, i);
      const token = text.slice(i, end);
      const value = Number(token);
      if (/^[-+.\d]/.test(token)) operands.push(Number.isNaN(value) ? 0 : value);
      else {
        yield { operator: token, operands, end };
        operands = [];
      }
      i = token === 'ID' ? endOfPicture(text, end) : end;
    }
  }
}

function endOfToken(text, from) {
  let i = from;
  while (i < text.length && !BREAK.test(text[i])) i++;
  return i;
}

function endOfString(text, from) {
  let depth = 0;
  for (let i = from; i < text.length; i++) {
    if (text[i] === '\\') i++;
    else if (text[i] === '(') depth++;
    else if (text[i] === ')' && --depth === 0) return i + 1;
  }
  return text.length;
}

function endOfHex(text, from) {
  if (text[from + 1] === '<') return from + 2;
  const end = text.indexOf('>', from);
  return end < 0 ? text.length : end + 1;
}

function endOfComment(text, from) {
  const end = text.slice(from).search(/[\r\n]/);
  return end < 0 ? text.length : from + end;
}

/** Pixels that lie in the text itself, up to the word that ends them. */
function endOfPicture(text, from) {
  const ending = /[\0\t\n\f\r ]EI(?=[\0\t\n\f\r ]|$)/g;
  ending.lastIndex = from;
  return ending.exec(text) ? ending.lastIndex : text.length;
}

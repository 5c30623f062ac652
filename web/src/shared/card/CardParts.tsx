import { chakra } from '@chakra-ui/react';
import { ink } from '../../theme/system';
import { cardWidth } from './CardPage';
import { wide as heading } from '../../theme/type';

export const cardEdge = 32;

interface TextProps {
  x: number;
  y: number;
  size?: number;
  strong?: boolean;
  quiet?: boolean;
  wide?: boolean;
  anchor?: 'start' | 'end';
  children: string;
}

/** A line of text on a card. */
export function CardText({ x, y, size = 14, strong, quiet, wide, anchor = 'start', children }: TextProps) {
  return (
    <chakra.text
      x={x}
      y={y}
      textAnchor={anchor}
      fill={ink(quiet ? 'quiet' : 'text')}
      fontSize={`${size}px`}
      fontWeight={strong ? 650 : 400}
      fontStretch={wide ? heading.fontStretch : '100%'}
      fontFamily="inherit"
    >
      {children}
    </chakra.text>
  );
}

interface SheetProps {
  height: number;
  title: string;
  lines: readonly string[];
}

/** Paper, title and lines under it, with the name of the program at the foot. */
export function CardSheet({ height, title, lines }: SheetProps) {
  return (
    <>
      <rect width={cardWidth} height={height} fill={ink('panel')} />
      <CardText x={cardEdge} y={48} size={28} strong wide>
        {title}
      </CardText>
      {lines.map((line, i) => (
        <CardText key={line} x={cardEdge} y={74 + 20 * i} quiet>
          {line}
        </CardText>
      ))}
      <CardText x={cardWidth - cardEdge} y={height - 16} size={12} quiet anchor="end">
        Ruddy Spring
      </CardText>
    </>
  );
}

/** Words in lines of so many characters at most. */
export function wrapped(text: string, most: number): string[] {
  const lines: string[] = [];
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + word.length < most) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word.slice(0, most));
  }
  return lines;
}

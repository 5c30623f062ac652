import { Box, Flex } from '@chakra-ui/react';
import { useRef, useState, type ReactNode } from 'react';
import { sentenceOf } from '../api/client';
import { Button, Notice, PageTitle } from '../ui/elements';
import { TextLink } from '../ui/TextLink';
import { download, pngOf, svgText } from './saveDrawing';

/** Width of a card, px: prints on one sheet of A4 or letter. */
export const cardWidth = 880;

interface Props {
  title: string;
  back: { to: string; word: string };
  /** Name of the files, without ending. */
  fileName: string;
  height: number;
  /** What the card shows, in words. */
  label: string;
  children: ReactNode;
}

/** A card to print, or to save as a picture: always on light paper. */
export function CardPage({ title, back, fileName, height, label, children }: Props) {
  const drawing = useRef<SVGSVGElement>(null);
  const [problem, setProblem] = useState<string>();
  const savePng = () =>
    pngOf(drawing.current!).then(
      (png) => download(png, `${fileName}.png`),
      (error: unknown) => setProblem(sentenceOf(error)),
    );
  return (
    <>
      <Box className="no-print">
        <PageTitle
          title={title}
          aside={
            <Flex gap="2" wrap="wrap" align="center">
              <Button
                onClick={() =>
                  download(new Blob([svgText(drawing.current!)], { type: 'image/svg+xml' }), `${fileName}.svg`)
                }
              >
                Save as SVG
              </Button>
              <Button onClick={() => void savePng()}>Save as PNG</Button>
              <Button tone="strong" onClick={() => print()}>
                Print
              </Button>
              <TextLink to={back.to}>{back.word}</TextLink>
            </Flex>
          }
        />
        {problem && <Notice role="alert">{problem}</Notice>}
      </Box>
      <Box className="light" overflowX="auto" tabIndex={0} role="region" aria-label={label}>
        <Box asChild maxWidth="100%" height="auto" borderWidth={{ base: '1px', _print: '0' }} borderColor="hairline">
          <svg
            ref={drawing}
            width={cardWidth}
            height={height}
            viewBox={`0 0 ${cardWidth} ${height}`}
            role="img"
            aria-label={label}
            data-testid="card"
          >
            {children}
          </svg>
        </Box>
      </Box>
    </>
  );
}

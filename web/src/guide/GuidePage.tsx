import { chakra } from '@chakra-ui/react';
import Markdown from 'react-markdown';
import remarkGfm from 'remark-gfm';
import { PageTitle, Panel } from '../shared/ui/elements';
import text from '../../../docs/guide.md?raw';

const Prose = chakra('div', {
  base: {
    maxWidth: '76ch',
    '& h2': { fontSize: '20px', mt: '6', mb: '2' },
    '& h2:first-of-type': { mt: '0' },
    '& p, & table, & pre': { mb: '3' },
    '& pre': { overflowX: 'auto', bg: 'page', p: '3', fontSize: '14px' },
    '& code': { fontFamily: 'monospace', fontSize: '0.93em' },
    '& a': { textDecoration: 'underline' },
    '& th, & td': {
      textAlign: 'start',
      p: '2',
      borderBottomWidth: '1px',
      borderColor: 'hairline',
      verticalAlign: 'top',
    },
  },
});

// the page has a heading of its own, and the other documents lie beside the program
const shown = text.replace(/^# .*\n/, '').replaceAll(/\[([^\]]+)\]\([a-z-]+\.md\)/g, '$1 (in the folder docs)');

/** The guide, as it stands in the documents. */
export default function GuidePage() {
  return (
    <>
      <PageTitle title="Guide" />
      <Panel>
        <Prose>
          <Markdown
            remarkPlugins={[remarkGfm]}
            components={{ pre: ({ children }) => <chakra.pre tabIndex={0}>{children}</chakra.pre> }}
          >
            {shown}
          </Markdown>
        </Prose>
      </Panel>
    </>
  );
}

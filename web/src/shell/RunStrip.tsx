import { Box, chakra, Flex, Grid } from '@chakra-ui/react';
import { NavLink, useLocation } from 'react-router';
import { useHousehold, useLatestShot, useSession, useSheet } from '../shared/api/queries';
import { timeOfDay, useNow } from '../shared/clock';
import { number, useUnits } from '../shared/units/units';
import { useStepSound } from '../shared/session/stepSound';
import { useLiveStatus } from '../shared/live/live';
import { Ribbon, RibbonLine } from './Ribbon';
import { wide } from '../theme/type';

const Segment = chakra(NavLink, {
  base: {
    display: 'block',
    position: 'relative',
    px: { base: '2', md: '4' },
    py: { base: '1.5', md: '2.5' },
    minHeight: { base: '48px', md: '64px' },
    color: 'text',
    borderInlineEndWidth: '1px',
    borderColor: 'hairline',
    borderBottomWidth: '4px',
    borderBottomColor: 'transparent',
    minWidth: 0,
    _hover: { bg: 'page' },
    '&.active': { borderBottomColor: 'oxide', bg: 'page' },
    // plain elements within: the strip is on every page, and each styled one takes a slow phone some milliseconds
    '& [data-part=title]': { display: 'flex', alignItems: 'baseline', gap: '1.5' },
    '& small': { fontSize: '12px', color: 'quiet', display: { base: 'none', md: 'inline' } },
    '& b': { ...wide, fontSize: { base: '15px', md: '17px' } },
    '& [data-part=state]': {
      fontSize: '13px',
      color: 'quiet',
      overflow: 'hidden',
      textOverflow: 'ellipsis',
      whiteSpace: 'nowrap',
      display: { base: 'none', md: 'block' },
    },
  },
});

const stages = {
  Idle: 'not begun',
  Ready: 'ready, waiting for the lever',
  Running: 'under way',
  Settling: 'weighing the last drops',
};

/** The session across the top: its working order is the way about the daily job. */
export function RunStrip() {
  const { data: household } = useHousehold();
  const { data: answer } = useSheet();
  const { data: session } = useSession();
  const now = useNow(1000);
  useStepSound(session, now);
  const { data: latest } = useLatestShot();
  const status = useLiveStatus();
  const units = useUnits();
  const { pathname } = useLocation();
  const shot = latest?.shots[0];
  const planned = session?.id != null;
  const degree = units.temperature(0).unit;
  const warmth = !session
    ? ''
    : planned
      ? session.begun
        ? `${session.hasBoiler ? 'group' : 'metal'} ${units.temperature(session.now.groupC).value} ` +
          `${degree}${session.hasBoiler ? (session.now.inBand ? ', in band' : ', not in band') : ''}`
        : `begin at ${timeOfDay(Date.parse(session.originAt) + session.startSeconds * 1000)}`
      : answer
        ? `water ${units.temperature(answer.waterC).value} ` +
          `\u00b1${units.temperatureStep(answer.waterPlusMinusC).value} ${degree}`
        : '';
  const segments = [
    { to: '/warm', name: 'Warm', state: warmth },
    {
      to: '/prepare',
      name: 'Prepare',
      state: answer
        ? `${number(answer.sheet.doseGrams, 1)} g to ${number(answer.sheet.yieldGrams, 0)} g`
        : 'what goes in',
    },
    { to: '/pull', name: 'Pull', state: stages[status.pulls.at(-1)?.stage ?? 'Idle'] },
    {
      to: '/taste',
      name: 'Taste',
      state: shot
        ? `shot ${shot.id}${shot.taste.liking ? `, liked ${shot.taste.liking} of 5` : ', not tasted yet'}`
        : 'no shot yet',
    },
  ];
  return (
    <Box as="header" bg="panel" borderBottomWidth="1px" borderColor="hairline" className="no-print">
      <Flex align="stretch">
        <Flex
          direction="column"
          justify="center"
          px="4"
          borderInlineEndWidth="1px"
          borderColor="hairline"
          width="212px"
          flexShrink={0}
          display={{ base: 'none', lg: 'flex' }}
        >
          <Box {...wide} color="oxide" lineHeight={1.1}>
            Ruddy Spring
          </Box>
          <Box fontSize="13px" color="quiet" truncate minHeight="1.5em">
            {household ? `${household.madeUp ? 'Sample: ' : ''}${household.name}` : ''}
          </Box>
        </Flex>
        <Grid as="nav" aria-label="Session" templateColumns="repeat(4, minmax(0, 1fr))" flex="1">
          {segments.map((s, i) => (
            <Segment key={s.to} to={s.to} aria-current={pathname.startsWith(s.to) ? 'step' : undefined}>
              <div data-part="title">
                <small>{i + 1}</small>
                <b>{s.name}</b>
              </div>
              <div data-part="state">{s.state}</div>
            </Segment>
          ))}
        </Grid>
      </Flex>
      <Box
        px="3"
        py="1"
        fontSize="13px"
        color="quiet"
        display={{ base: 'block', md: 'none' }}
        minHeight="calc(1.5em + 9px)"
        borderTopWidth="1px"
        borderColor="hairline"
        truncate
      >
        {session && planned ? (
          <RibbonLine session={session} />
        ) : (
          (segments.find((s) => pathname.startsWith(s.to))?.state ?? warmth)
        )}
      </Box>
      {session && planned && (
        <Flex display={{ base: 'none', md: 'flex' }} borderTopWidth="1px" borderColor="hairline" align="stretch">
          <Flex
            direction="column"
            justify="center"
            px="4"
            width="212px"
            flexShrink={0}
            fontSize="13px"
            lineHeight={1.25}
            borderInlineEndWidth="1px"
            borderColor="hairline"
          >
            <Box truncate fontWeight={650}>
              {session.next ? `Next: ${session.next.title}` : 'All done'}
            </Box>
            <Box color="quiet" truncate>
              {session.next
                ? dueAt(Date.parse(session.originAt) + session.next.startSeconds * 1000, now)
                : 'end the session under Warm'}
            </Box>
          </Flex>
          <Ribbon session={session} nowMs={now} />
        </Flex>
      )}
      {status.connected === false && (
        <Box px="4" py="1" fontSize="14px" bg="page" role="status">
          No live connection to the server. Trying again.
        </Box>
      )}
    </Box>
  );
}

/** When a step is due, and how far off that is. */
function dueAt(ms: number, nowMs: number): string {
  const mins = Math.round((ms - nowMs) / 60_000);
  return `${timeOfDay(ms)}${mins >= 1 ? `, in ${mins} min` : ', now'}`;
}

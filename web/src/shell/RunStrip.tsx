import { Box, chakra, Flex, Grid } from '@chakra-ui/react';
import { NavLink, useLocation } from 'react-router';
import { useHousehold, useLatestShot, useSheet, useWarm } from '../shared/api/queries';
import { number, useUnits } from '../shared/units/units';
import { useLiveStatus } from './live';

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
  const { data: warm } = useWarm();
  const { data: latest } = useLatestShot();
  const status = useLiveStatus();
  const units = useUnits();
  const { pathname } = useLocation();
  const shot = latest?.shots[0];
  const water = warm
    ? `Water ${units.temperature(warm.waterC).value} \u00b1${units.temperatureStep(warm.waterPlusMinusC).value} ${units.temperature(0).unit}`
    : '';
  const segments = [
    { to: '/warm', name: 'Warm', state: warm?.state ? (warm.state.doneAt ? `done, ${water.toLowerCase()}` : 'warming') : water },
    {
      to: '/prepare',
      name: 'Prepare',
      state: answer ? `${number(answer.sheet.doseGrams, 1)} g to ${number(answer.sheet.yieldGrams, 0)} g` : 'what goes in',
    },
    { to: '/pull', name: 'Pull', state: stages[status.stage] },
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
          <Box fontStretch="118%" fontWeight={680} color="oxide" lineHeight={1.1}>
            Ruddy Spring
          </Box>
          <Box fontSize="13px" color="quiet" truncate>
            {household ? `${household.name}, ${household.altitudeMetres.toFixed(0)} m` : ''}
          </Box>
        </Flex>
        <Grid as="nav" aria-label="Session" templateColumns="repeat(4, minmax(0, 1fr))" flex="1">
          {segments.map((s, i) => (
            <Segment key={s.to} to={s.to} aria-current={pathname.startsWith(s.to) ? 'step' : undefined}>
              <Flex align="baseline" gap="1.5">
                <Box as="span" fontSize="12px" color="quiet" display={{ base: 'none', md: 'inline' }}>
                  {i + 1}
                </Box>
                <Box as="span" fontStretch="112%" fontWeight={650} fontSize={{ base: '15px', md: '17px' }}>
                  {s.name}
                </Box>
              </Flex>
              <Box fontSize="13px" color="quiet" truncate display={{ base: 'none', md: 'block' }}>
                {s.state}
              </Box>
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
        borderTopWidth="1px"
        borderColor="hairline"
        truncate
      >
        {segments.find((s) => pathname.startsWith(s.to))?.state ?? water}
      </Box>
      {status.connected === false && (
        <Box px="4" py="1" fontSize="14px" bg="page" role="status">
          No live connection to the server. Trying again.
        </Box>
      )}
    </Box>
  );
}

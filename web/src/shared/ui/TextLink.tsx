import { chakra } from '@chakra-ui/react';
import { Link } from 'react-router';

/** A link in running text, underlined. */
export const TextLink = chakra(Link, { base: { textDecoration: 'underline', textUnderlineOffset: '3px' } });

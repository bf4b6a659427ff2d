import type { Phase } from '@zealous/core';
import type { Href } from 'expo-router';

export const orderHref = (id: string, phase: Phase): Href => `/order/${id}/${phase}` as Href;

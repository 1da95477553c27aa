// Small things that are worth keeping and no loss where they are gone: layouts that were found, what was seen already.
import localforage from 'localforage'

export const smallThings = localforage.createInstance({ name: 'feuillet', storeName: 'shared' })

import { beginLedger } from './app/frame/ledgerThread';

// The framework runs this before it brings the page to life.
beginLedger();

CREATE TRIGGER `ledger_no_update` BEFORE UPDATE ON `ledger` BEGIN SELECT RAISE(ABORT, 'the ledger is append-only'); END;
--> statement-breakpoint
CREATE TRIGGER `ledger_no_delete` BEFORE DELETE ON `ledger` BEGIN SELECT RAISE(ABORT, 'the ledger is append-only'); END;

// Signing is tested in its own tests; elsewhere its cost is only time.
process.env.LANTERN_TEST_HASHES = "1";

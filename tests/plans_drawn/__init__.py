"""Plans drawn from a known truth, for the reader of plans; nothing here knows that reader."""

"""Plans as they were read last: by them, what is the file's and what is own work is told when one is read again."""

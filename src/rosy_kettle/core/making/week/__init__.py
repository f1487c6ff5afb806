"""The week: batches that share hands, bowls, moulds and the rack, each dry by its day."""

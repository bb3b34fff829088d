"""Practice: questions from any plan, the same part with new givens, answers judged and understood,
what comes next."""

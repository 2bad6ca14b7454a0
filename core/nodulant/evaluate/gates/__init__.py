"""What has to hold before a step opens: parts in hand, the height that brackets are made at."""

"""Plain data that operations hand upwards: parts, seams, limits and steps."""

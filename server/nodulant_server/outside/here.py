"""The yard and the table that this shop talks to: its stand-ins, until a real one is set."""

from nodulant_server.outside.port import Table, Yard
from nodulant_server.outside.simulated_table import SimulatedTable
from nodulant_server.outside.simulated_yard import SimulatedYard

TABLE: Table = SimulatedTable()
YARD: Yard = SimulatedYard()

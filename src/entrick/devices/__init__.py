"""Small simulated stand-ins for devices that are not here: each with the interface a real driver
would have, and with faults that can be switched on."""

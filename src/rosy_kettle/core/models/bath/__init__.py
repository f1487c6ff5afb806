"""The water of the bath: its equilibria and its pH."""

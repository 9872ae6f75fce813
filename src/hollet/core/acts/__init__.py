"""What a hand may do: one family of acts a module, one class an act."""

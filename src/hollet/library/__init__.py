"""What ships as data: sheets, tools, and what the shop knows."""

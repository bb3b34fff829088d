"""What the desk offers while one writes: completion, regions, methods side by side, a brief
followed."""

"""Foundation walls, footings and slabs; what stands on nothing."""

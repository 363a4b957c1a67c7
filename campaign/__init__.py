"""A campaign against the whole product: valid scenes, every verb, many clients, kills, a full disk. `make campaign`."""

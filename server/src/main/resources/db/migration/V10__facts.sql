-- What is known of a material besides its look: density, price, waste, carbon, tags.
alter table material add column facts jsonb;

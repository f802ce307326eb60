package app.zolvan.core.material;

import java.util.List;

/**
 * What is known of a material besides its look.
 *
 * @param density in kg/m³
 * @param price   per m², in the project's currency
 * @param waste   share of what is bought that is cut away, in percent
 * @param carbon  embodied, in kg CO₂e per m²; below 0 where it stores more
 * @param tags    words of tone, finish, room and use
 */
public record Facts(double density, double price, double waste, double carbon, List<String> tags) {}

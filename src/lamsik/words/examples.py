"""What may be typed where what was typed cannot be read."""

EXAMPLES = {
    "length": 'type a length such as 12.5 mm, 1 1/2 in or 5/16"',
    "mass": "type a mass such as 4.2 g, 2 lb 3 oz or 65 grains",
    "temperature": "type a temperature with its unit, such as 12 °C or 54 °F",
    "warming": "type by how much, such as 10 °C",
    "volume": "type a volume such as 12 ml",
    "density": "type a density such as 0.42 g/cm³",
    "speed": "type a speed such as 6 cm/s",
    "area": "type an area such as 12 cm²",
    "frequency": "type a frequency such as 2.4 Hz",
    "angle": "type an angle such as 35°",
    "thickness": "type a film thickness such as 40 µm",
    "pressure": "type an air pressure such as 1.4 bar or 20 psi",
    "time": "type a time such as 12 h or 30 min",
    "salinity": "type a practical salinity such as 6 PSU",
    "percent": "type a share such as 2 %",
    "distance": "type a distance such as 25 m or 80 ft",
    "pace": "type a speed such as 3.5 km/h or 1 m/s",
    "seconds": "type a time such as 2.4 s",
    "minutes": "type a time such as 25 min",
    "days": "type a number of days such as 180 d",
    "number": "type a plain number such as 2.5",
}
"""By the quantity of the field."""

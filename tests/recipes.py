"""Recipe texts that more than one test reads."""

TWELVE_LINES = """Weather scoops

Dry:
2 1/2 cups bicarb
1 cup SLSA powder
3/4 cup cornflour (sifted)
1/4 cup cream of tartar
2 tbsp kaolin

Wet phase
1/3 cup coco betaine
2 Tbsp glycerine
1 tbsp almond oil
1 tsp poly 80
10–20 drops lavender EO
a pinch of mica
1 tsp moon glimmer
"""

<h1>Edge Map</h1>

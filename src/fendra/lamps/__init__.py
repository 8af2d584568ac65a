"""Lamp arrays: keyboards, mice and cases whose lamps any computer can set over USB.

USB HID Usage Tables 1.4, section 26 (Lighting and Illumination page, 0x59), on top of USB Device
Class Definition for HID 1.11. `usages` has the standard's numbers, `descriptor` reads what a device
says of its reports, `reports` packs and unpacks them, `array` talks with a device, `make` writes
the descriptor of a device of one's own. No module here opens a device.
"""

"""What the computer itself tells: the program in front, whether it is idle or locked, its heat, its
volume, the music that plays.

`parts` says what a part of it is and puts them together; `sensors` works everywhere; `linux`,
`windows` and `macos` hold the forms of the others. A part says why it cannot give something.
"""

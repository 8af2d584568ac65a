"""What the computer itself tells: programs, heat, sound, whether it is idle or locked.

`parts` says what a part of it is and puts them together; `sensors` works everywhere; `linux`,
`windows` and `macos` hold the forms of the others. A part says why it cannot give something.
"""

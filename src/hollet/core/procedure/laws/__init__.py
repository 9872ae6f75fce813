"""The laws of a sheet: what every sheet keeps so that a mechanic who believes each word is not hurt
by it. A law is a generator of breaches.
"""

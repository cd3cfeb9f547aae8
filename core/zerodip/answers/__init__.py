"""What is answered to a page, worked out from plain values alone: in the server, and in a browser
without one."""

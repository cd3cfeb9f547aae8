"""From where a request comes, as far as it can be told."""

from ipaddress import IPv6Address, ip_address

from django.http import HttpRequest

__all__ = ["network_of"]

_ONE_HOME = 64  # bits: whoever has one address of version 6 has all that share them


def network_of(request: HttpRequest) -> str:
    """The sender's address (IPv4) or its network of 64 bits (IPv6); "" where it is not known.

    The web server in front reaches the workers by a local socket that nobody else can open, and
    says there for whom it asks; of any other sender the address is its own, whatever it says.
    """
    said = request.META.get("REMOTE_ADDR") or request.META.get("HTTP_X_REAL_IP", "")
    try:
        address = ip_address(said)
    except ValueError:
        return ""
    if isinstance(address, IPv6Address):
        if address.ipv4_mapped:
            return str(address.ipv4_mapped)
        return str(IPv6Address(int(address) >> _ONE_HOME << _ONE_HOME))
    return str(address)

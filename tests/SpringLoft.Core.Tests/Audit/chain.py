"""What AuditChainTests expects, made by Python's hashlib from the same parts, each written as a netstring."""
import hashlib


def digest(*parts):
    said = b"".join(b"-" if p is None else b"%d:%s," % (len(p.encode()), p.encode()) for p in parts)
    return hashlib.sha256(said).hexdigest()


print(digest("0a1b", "Wren Aldersund", "“Clay” to “Ton”, naïve"))
print(digest("0" * 64, "7", "2026-09-01T08:00:00Z", "3", "renamed", "item", "12", None, "192.0.2.7", "5", "ab"))

namespace Daxlin.Core.Posting.Receivers;

/// <summary>How the line to a mail server is kept from being listened to.</summary>
public enum MailEncryption
{
    /// <summary>Begun in the open and encrypted at once, or refused (RFC 3207).</summary>
    StartTls,

    /// <summary>Encrypted from the first byte (RFC 8314).</summary>
    Tls,

    /// <summary>Not at all: for a server on this machine.</summary>
    None,
}

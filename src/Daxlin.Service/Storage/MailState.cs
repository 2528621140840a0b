namespace Daxlin.Service.Storage;

/// <summary>How it stands with a message that is sent once: an answer to a sender, a letter to a vendor.</summary>
public enum MailState
{
    /// <summary>None is sent.</summary>
    None,

    /// <summary>It goes as soon as it can.</summary>
    Waiting,

    /// <summary>It is being handed over. What is found so after a death may have arrived, and is not sent again.</summary>
    Sending,
    Sent,

    /// <summary>A person has to look.</summary>
    GivenUp,
}

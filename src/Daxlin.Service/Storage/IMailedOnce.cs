namespace Daxlin.Service.Storage;

/// <summary>What is kept of a message that is sent once.</summary>
public interface IMailedOnce
{
    int Id { get; }
    MailState State { get; set; }

    /// <summary>What the mail server said, or what stood in the way.</summary>
    string Says { get; set; }

    /// <summary>How often it was tried in vain, and when it is tried next.</summary>
    int Attempts { get; set; }
    DateTime? NextAt { get; set; }
    DateTime? SentAt { get; set; }
}

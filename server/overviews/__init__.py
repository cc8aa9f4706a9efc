"""What is shown of many things at once: today, a site, a tester."""

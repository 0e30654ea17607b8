/** What the service says by itself, in messages and about forms: as `phrases`, and no browser needs it. */
export const messagePhrases = {
  'Go to the first page of {0}': ['Zur ersten Seite von {0}', 'Aller à la première page de {0}', 'Ir a la primera página de {0}'],
  'This page was removed': ['Diese Seite wurde entfernt', 'Cette page a été supprimée', 'Esta página se ha eliminado'],
  'Nothing is at this address any more.': [
    'Unter dieser Adresse ist nichts mehr.',
    'Il n’y a plus rien à cette adresse.',
    'Ya no hay nada en esta dirección.',
  ],
  'There is no such page': ['Diese Seite gibt es nicht', 'Cette page n’existe pas', 'Esta página no existe'],
  'The address is not valid.': [
    'Die Adresse führt nirgendwohin.',
    'L’adresse ne mène nulle part.',
    'La dirección no lleva a ninguna parte.',
  ],
  'Perhaps it is mistyped, or the page is gone.': [
    'Vielleicht ist sie vertippt, oder die Seite gibt es nicht mehr.',
    'Elle est peut-être mal saisie, ou la page n’existe plus.',
    'Quizá esté mal escrita, o la página ya no exista.',
  ],
  'This is not a valid address': ['Das ist keine Adresse', 'Ce n’est pas une adresse', 'Eso no es una dirección'],
  'Something is wrong in the address': [
    'In der Adresse stimmt etwas nicht',
    'Il y a une erreur dans l’adresse',
    'Hay un error en la dirección',
  ],
  'There is no such {0}': ['Nicht gefunden: {0}', 'Introuvable : {0}', 'No existe: {0}'],
  'Nothing is kept under {0}. Perhaps it is mistyped, or it has been removed.': [
    'Unter {0} ist nichts abgelegt. Vielleicht ist es vertippt, oder es wurde entfernt.',
    'Rien n’est enregistré sous {0}. C’est peut-être mal saisi, ou cela a été supprimé.',
    'No hay nada guardado como {0}. Quizá esté mal escrito o se haya eliminado.',
  ],
  'This page is not open to you': [
    'Diese Seite ist für Sie nicht zugänglich',
    'Cette page ne vous est pas ouverte',
    'Esta página no está abierta para usted',
  ],
  'The account that you are signed in with may not see it.': [
    'Das Konto, mit dem Sie angemeldet sind, darf sie nicht sehen.',
    'Le compte avec lequel vous êtes connecté ne peut pas la voir.',
    'La cuenta con la que ha iniciado sesión no puede verla.',
  ],
  'Sign in with another account': [
    'Mit einem anderen Konto anmelden',
    'Se connecter avec un autre compte',
    'Iniciar sesión con otra cuenta',
  ],
  'Too many at once': ['Zu viele auf einmal', 'Trop de monde à la fois', 'Demasiados a la vez'],
  'So many people are here that we cannot keep up. Please try again in a moment.': [
    'Gerade sind so viele hier, dass wir nicht nachkommen. Bitte versuchen Sie es gleich noch einmal.',
    'Il y a tant de monde que nous ne suivons pas. Veuillez réessayer dans un instant.',
    'Hay tanta gente que no damos abasto. Inténtelo de nuevo en un momento.',
  ],
  'It is not saved yet.': ['Es ist noch nicht gespeichert.', 'Ce n’est pas encore enregistré.', 'Todavía no se ha guardado.'],
  'Please look at what is marked.': [
    'Bitte sehen Sie sich an, was markiert ist.',
    'Veuillez vérifier ce qui est marqué.',
    'Revise lo que está marcado.',
  ],
  'So many mails were asked for from your network that no more are sent for a few minutes. Nothing is saved yet; please try again later.': [
    'Aus Ihrem Netz wurden so viele E-Mails angefordert, dass einige Minuten lang keine mehr gesendet werden. Noch ist nichts gespeichert; bitte versuchen Sie es später noch einmal.',
    'Votre réseau a demandé tant de messages qu’aucun ne part pendant quelques minutes. Rien n’est encore enregistré ; veuillez réessayer plus tard.',
    'Desde su red se han pedido tantos mensajes que durante unos minutos no se envían más. Aún no se ha guardado nada; inténtelo más tarde.',
  ],
  'This form has sent so many mails that it sends no more for an hour. Nothing is saved yet; please try again later.': [
    'Dieses Formular hat so viele E-Mails gesendet, dass es eine Stunde lang keine mehr sendet. Noch ist nichts gespeichert; bitte versuchen Sie es später noch einmal.',
    'Ce formulaire a envoyé tant de messages qu’il n’en envoie plus pendant une heure. Rien n’est encore enregistré ; veuillez réessayer plus tard.',
    'Este formulario ha enviado tantos mensajes que durante una hora no envía más. Aún no se ha guardado nada; inténtelo más tarde.',
  ],
  'So many mails went to this address that no more are sent to it for a while. Nothing is saved yet; please try again later.': [
    'An diese Adresse gingen so viele E-Mails, dass sie eine Zeit lang keine mehr bekommt. Noch ist nichts gespeichert; bitte versuchen Sie es später noch einmal.',
    'Tant de messages sont partis vers cette adresse qu’elle n’en reçoit plus pour le moment. Rien n’est encore enregistré ; veuillez réessayer plus tard.',
    'A esta dirección se han enviado tantos mensajes que por un tiempo no recibe más. Aún no se ha guardado nada; inténtelo más tarde.',
  ],
  'The record is not there any more.': ['Den Eintrag gibt es nicht mehr.', 'Cet élément n’existe plus.', 'Ese elemento ya no existe.'],
  'This was changed by another person meanwhile. Your text stands below and is not saved; send it again to put it in the place of theirs.':
    [
      'Das hat inzwischen jemand anderes geändert. Ihr Text steht unten und ist nicht gespeichert; senden Sie ihn noch einmal, um den anderen zu ersetzen.',
      'Une autre personne a modifié ceci entre-temps. Votre texte est ci-dessous et n’est pas enregistré ; envoyez-le de nouveau pour remplacer le sien.',
      'Otra persona ha cambiado esto entretanto. Su texto está abajo y no se ha guardado; envíelo de nuevo para sustituir el otro.',
    ],
  'Another record has this already.': [
    'Ein anderer Eintrag hat diesen Wert schon.',
    'Un autre élément a déjà cette valeur.',
    'Otro elemento ya tiene este valor.',
  ],
  'There is no such record.': ['Diesen Eintrag gibt es nicht.', 'Cet élément n’existe pas.', 'Ese elemento no existe.'],
  'The file is not here any more. Please choose it again.': [
    'Die Datei ist nicht mehr da. Bitte wählen Sie sie noch einmal aus.',
    'Le fichier n’est plus là. Veuillez le choisir de nouveau.',
    'El archivo ya no está aquí. Elíjalo de nuevo.',
  ],
  'So many files are under way that there is no room. Please try again later.': [
    'Es sind so viele Dateien unterwegs, dass kein Platz ist. Bitte versuchen Sie es später noch einmal.',
    'Trop de fichiers sont en cours d’envoi. Veuillez réessayer plus tard.',
    'Hay demasiados archivos en camino. Inténtelo de nuevo más tarde.',
  ],
  'Your session had ended, so this was not saved. Here it is again: please send it once more.': [
    'Ihre Anmeldung war abgelaufen, deshalb wurde das nicht gespeichert. Hier ist es wieder: Bitte senden Sie es noch einmal.',
    'Votre session était terminée, ce n’est donc pas enregistré. Voici votre texte : veuillez l’envoyer de nouveau.',
    'Su sesión había terminado, por eso no se guardó. Aquí está de nuevo: envíelo otra vez.',
  ],
  'That form is not here': ['Dieses Formular ist nicht hier', 'Ce formulaire n’est pas ici', 'Ese formulario no está aquí'],
  'The page does not show this form any more: what it depends on has changed meanwhile.': [
    'Die Seite zeigt dieses Formular nicht mehr: Wovon es abhängt, hat sich inzwischen geändert.',
    'La page ne montre plus ce formulaire : ce dont il dépend a changé entre-temps.',
    'La página ya no muestra este formulario: aquello de lo que depende ha cambiado entretanto.',
  ],
  'Nothing is saved. This is what you typed:': [
    'Es ist nichts gespeichert. Das haben Sie eingegeben:',
    'Rien n’est enregistré. Voici ce que vous avez saisi :',
    'No se ha guardado nada. Esto es lo que escribió:',
  ],
  'The file is not what its name says.': [
    'Die Datei ist nicht, was ihr Name sagt.',
    'Le fichier n’est pas ce que dit son nom.',
    'El archivo no es lo que dice su nombre.',
  ],
  'Back to the page': ['Zurück zur Seite', 'Revenir à la page', 'Volver a la página'],
  'There is no page at {0}.': ['Unter {0} gibt es keine Seite.', 'Aucune page ne se trouve à {0}.', 'No hay ninguna página en {0}.'],
  'The address is longer than {0} characters.': [
    'Die Adresse hat mehr als {0} Zeichen.',
    'L’adresse compte plus de {0} caractères.',
    'La dirección tiene más de {0} caracteres.',
  ],
  'Something went wrong': ['Das hat nicht geklappt', 'Cela n’a pas fonctionné', 'No ha funcionado'],
  'An error occurred on our side and was logged. Please try again.': [
    'Bei uns ist etwas schiefgegangen; es steht im Protokoll des Dienstes. Bitte versuchen Sie es noch einmal.',
    'Une erreur s’est produite chez nous ; elle est dans le journal du service. Veuillez réessayer.',
    'Se ha producido un error por nuestra parte; está en el registro del servicio. Inténtelo de nuevo.',
  ],
  'Request rejected': ['Anfrage abgelehnt', 'Requête refusée', 'Solicitud rechazada'],
  'This form cannot be sent here': [
    'Das kann hier nicht gesendet werden',
    'Cela ne peut pas être envoyé ici',
    'Eso no se puede enviar aquí',
  ],
  'The page does not have this form.': [
    'Die Seite hat kein solches Formular.',
    'La page n’a pas ce formulaire.',
    'La página no tiene ese formulario.',
  ],
  'There is no such file': ['Diese Datei gibt es nicht', 'Ce fichier n’existe pas', 'Ese archivo no existe'],
  'It may have been renamed or removed.': [
    'Vielleicht wurde sie umbenannt oder entfernt.',
    'Il a peut-être été renommé ou supprimé.',
    'Quizá se haya renombrado o eliminado.',
  ],
  'The page of this form no longer exists.': [
    'Die Seite dieses Formulars gibt es nicht mehr.',
    'La page de ce formulaire n’existe plus.',
    'La página de este formulario ya no existe.',
  ],
  'Something is missing': ['Es fehlt etwas', 'Il manque quelque chose', 'Falta algo'],
  'Go back and fill in all required fields.': [
    'Gehen Sie zurück und füllen Sie alle Felder aus, die die Seite braucht.',
    'Revenez en arrière et remplissez tous les champs nécessaires à la page.',
    'Vuelva atrás y rellene todos los campos que la página necesita.',
  ],
  'This address does not work': [
    'Diese Adresse führt nirgendwohin',
    'Cette adresse ne mène nulle part',
    'Esta dirección no lleva a ninguna parte',
  ],
  'It redirects to another page, but a value for that page is missing.': [
    'Sie führte zu einer anderen Seite, und ein Wert dafür fehlt jetzt.',
    'Elle menait à une autre page, et une valeur manque maintenant pour cela.',
    'Llevaba a otra página, y ahora falta un valor para ella.',
  ],
  'The address is too long': ['Die Adresse ist zu lang', 'L’adresse est trop longue', 'La dirección es demasiado larga'],
  'Create a short address for it first, so that it fits into a code.': [
    'Machen Sie zuerst eine kurze Adresse daraus; dann passt sie in einen Code.',
    'Faites-en d’abord une adresse courte ; elle tiendra alors dans un code.',
    'Haga primero una dirección corta; así cabrá en un código.',
  ],
  'Codes are available only for addresses of this app: ~qr.svg?of=/…': [
    'Codes gibt es nur für Adressen dieser App: ~qr.svg?of=/…',
    'Il n’y a de codes que pour les adresses de cette application : ~qr.svg?of=/…',
    'Solo hay códigos para direcciones de esta aplicación: ~qr.svg?of=/…',
  ],
  'Too many codes': ['Zu viele Codes', 'Trop de codes', 'Demasiados códigos'],
  'You requested too many codes. Please try again in a minute.': [
    'Für Sie wurden so viele Codes gezeichnet, dass es eine Minute lang keine mehr gibt.',
    'Tant de codes ont été dessinés pour vous qu’il n’y en a plus pendant une minute.',
    'Se han dibujado tantos códigos para usted que durante un minuto no hay más.',
  ],
  'The form came from another site': ['Das kam von einer anderen Website', 'Cela vient d’un autre site', 'Eso ha venido de otro sitio'],
  'The form was not sent from this site, so it was not accepted.': [
    'Das Formular wurde nicht von dieser Website gesendet und deshalb nicht angenommen.',
    'Le formulaire n’a pas été envoyé depuis ce site ; il n’a pas été accepté.',
    'El formulario no se envió desde este sitio, por lo que no se aceptó.',
  ],
  'Your network sent too many forms. Nothing is saved yet. Wait a minute, then go back and send the form again.': [
    'Aus Ihrem Netz kamen so viele Formulare, dass eine Minute lang keine mehr angenommen werden. Noch ist nichts gespeichert; bitte gehen Sie zurück und senden Sie es noch einmal.',
    'Votre réseau a envoyé tant de formulaires qu’aucun n’est accepté pendant une minute. Rien n’est encore enregistré ; veuillez revenir en arrière et l’envoyer de nouveau.',
    'Desde su red han llegado tantos formularios que durante un minuto no se aceptan más. Aún no se ha guardado nada; vuelva atrás y envíelo de nuevo.',
  ],
  'Too many files': ['Zu viele Dateien', 'Trop de fichiers', 'Demasiados archivos'],
  'Your network sent too many files. Please try again later.': [
    'Aus Ihrem Netz kamen so viele Dateien, dass eine Zeit lang keine mehr angenommen werden.',
    'Votre réseau a envoyé tant de fichiers qu’aucun n’est accepté pour le moment.',
    'Desde su red han llegado tantos archivos que por un tiempo no se aceptan más.',
  ],
  'This short address does not work': [
    'Diese kurze Adresse führt nirgendwohin',
    'Cette adresse courte ne mène nulle part',
    'Esta dirección corta no lleva a ninguna parte',
  ],
  'It may be mistyped, expired or withdrawn.': [
    'Sie ist vertippt, abgelaufen oder wurde zurückgezogen.',
    'Elle est mal saisie, elle a expiré ou elle a été retirée.',
    'Está mal escrita, ha caducado o se ha retirado.',
  ],
  'This short address no longer works': [
    'Diese kurze Adresse führt nirgendwohin mehr',
    'Cette adresse courte ne mène plus nulle part',
    'Esta dirección corta ya no lleva a ninguna parte',
  ],
  'The page it was created for is no longer part of the app.': [
    'Die Seite, für die sie angelegt wurde, gehört nicht mehr zur App.',
    'La page pour laquelle elle a été créée ne fait plus partie de l’application.',
    'La página para la que se hizo ya no forma parte de la aplicación.',
  ],
  'Short address withdrawn': ['Sie ist zurückgezogen', 'Elle est retirée', 'Está retirada'],
  'The short address no longer works.': [
    'Die kurze Adresse führt ab jetzt nirgendwohin.',
    'L’adresse courte ne mène désormais nulle part.',
    'La dirección corta ya no lleva a ninguna parte.',
  ],
  'It cannot be withdrawn from here': [
    'Sie kann von hier aus nicht zurückgezogen werden',
    'Elle ne peut pas être retirée d’ici',
    'No se puede retirar desde aquí',
  ],
  'Only the browser that created it, or the owner of the app, can withdraw it.': [
    'Das kann nur der Browser, der sie angelegt hat, oder wem die App gehört.',
    'Seul le navigateur qui l’a créée, ou le propriétaire de l’application, peut le faire.',
    'Solo puede hacerlo el navegador que la creó o el propietario de la aplicación.',
  ],
  'No short address was created': [
    'Es wurde keine kurze Adresse angelegt',
    'Aucune adresse courte n’a été créée',
    'No se ha creado ninguna dirección corta',
  ],
  'The page at this address does not offer short addresses.': [
    'Für diese Adresse gibt es keine: Keine Seite der App bietet das dort an.',
    'Il n’y en a pas pour cette adresse : aucune page de l’application ne la propose.',
    'No la hay para esta dirección: ninguna página de la aplicación la ofrece.',
  ],
  'Too many short addresses were created. Please try again later.': [
    'Es wurden so viele kurze Adressen angelegt, dass wir nicht nachkommen. Bitte versuchen Sie es später noch einmal.',
    'Tant d’adresses courtes ont été créées que nous ne suivons pas. Veuillez réessayer plus tard.',
    'Se han creado tantas direcciones cortas que no damos abasto. Inténtelo más tarde.',
  ],
  'It leads to {0}': ['Sie führt zu {0}', 'Elle mène à {0}', 'Lleva a {0}'],
  'It does not expire.': ['Sie gilt unbegrenzt.', 'Elle ne s’arrête pas.', 'No caduca.'],
  'It leads there until {0}.': ['Sie führt bis {0} dorthin.', 'Elle y mène jusqu’au {0}.', 'Lleva allí hasta el {0}.'],
  'Go there': ['Dorthin', 'Y aller', 'Ir allí'],
  'The short address as a QR code': ['Die kurze Adresse als QR-Code', 'L’adresse courte en code QR', 'La dirección corta como código QR'],
  'Withdraw it': ['Zurückziehen', 'La retirer', 'Retirarla'],
  'You cannot create an account on this page.': [
    'Auf dieser Seite legt niemand ein Konto an.',
    'Personne ne crée de compte sur cette page.',
    'En esta página no se crean cuentas.',
  ],
  'The account is not created yet. Please check the marked fields.': [
    'Es gibt noch kein Konto. Bitte sehen Sie sich an, was markiert ist.',
    'Il n’y a pas encore de compte. Veuillez vérifier ce qui est marqué.',
    'Todavía no hay cuenta. Revise lo que está marcado.',
  ],
  'Your network requested too many accounts. Please try again later.': [
    'Aus Ihrem Netz wurden so viele Konten angefordert, dass eine Zeit lang keine mehr angelegt werden. Bitte versuchen Sie es später noch einmal.',
    'Votre réseau a demandé tant de comptes qu’aucun n’est créé pour le moment. Veuillez réessayer plus tard.',
    'Desde su red se han pedido tantas cuentas que por un tiempo no se crean más. Inténtelo más tarde.',
  ],
  'Enter 1 to 80 characters.': [
    'Bitte 1 bis 80 Zeichen.',
    'Entre 1 et 80 caractères, s’il vous plaît.',
    'Entre 1 y 80 caracteres, por favor.',
  ],
  'An account with this name already exists.': [
    'Ein Konto mit diesem Namen gibt es schon.',
    'Un compte de ce nom existe déjà.',
    'Ya existe una cuenta con ese nombre.',
  ],
  'A login name has up to 100 letters and digits, and the signs . _ @ + - only.': [
    'Ein Anmeldename hat höchstens 100 Buchstaben und Ziffern und sonst nur die Zeichen . _ @ + -',
    'Un nom de connexion compte au plus 100 lettres et chiffres, et les seuls signes . _ @ + -',
    'Un nombre de inicio de sesión tiene como máximo 100 letras y cifras, y solo los signos . _ @ + -',
  ],
  'It needs at least {0} characters.': [
    'Es braucht mindestens {0} Zeichen.',
    'Il faut au moins {0} caractères.',
    'Necesita al menos {0} caracteres.',
  ],
  'It may have at most {0} characters.': [
    'Es darf höchstens {0} Zeichen haben.',
    'Il peut compter au plus {0} caractères.',
    'Puede tener como máximo {0} caracteres.',
  ],
  'This password is too common. Choose another one.': [
    'Das ist eines der ersten Passwörter, die jemand ausprobieren würde. Wählen Sie ein anderes.',
    'C’est l’un des premiers mots de passe que l’on essaierait. Choisissez-en un autre.',
    'Es una de las primeras contraseñas que se probarían. Elija otra.',
  ],
  'It is the same as the name. Choose another one.': [
    'Es ist dasselbe wie der Name. Wählen Sie ein anderes.',
    'Il est identique au nom. Choisissez-en un autre.',
    'Es igual que el nombre. Elija otra.',
  ],
} as const satisfies Record<string, readonly [german: string, french: string, spanish: string]>;

export type MessagePhrase = keyof typeof messagePhrases;
